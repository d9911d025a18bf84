// In which browsers one is signed in, and signing out in the others.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { count, moment } from "../ui/format";
import { Button } from "../ui/pieces";

const KEY = ["own-sessions"];

export function OwnSessions() {
  const queries = useQueryClient();
  const sessions = useQuery({ queryKey: KEY, queryFn: () => ask(api.GET("/api/account/sessions")) });
  const end = useMutation({
    mutationFn: () => ask(api.DELETE("/api/account/sessions")),
    onSuccess: (left) => queries.setQueryData(KEY, left),
  });
  const all = sessions.data ?? [];
  const others = all.filter((one) => !one.here).length;
  const problem = sessions.error ?? end.error;
  return (
    <section aria-label="Where you are signed in" className="mt-5 border-t border-rule pt-3">
      <h3 className="mb-1">Where you are signed in</h3>
      <ul>
        {all.map((one) => (
          <li
            key={one.began_at + one.ends_at}
            className="row-line grid grid-cols-[8rem_1fr_auto] gap-x-3 py-1"
          >
            <b className="font-semibold">{one.here ? "This browser" : "Another one"}</b>
            <span>since {moment(one.began_at)}</span>
            <span className="text-soft">unused it ends {moment(one.ends_at)}</span>
          </li>
        ))}
      </ul>
      {problem && (
        <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-3 py-2">
          {problem.message}
        </p>
      )}
      {others > 0 && (
        <Button className="mt-2" disabled={end.isPending} onClick={() => end.mutate()}>
          Sign out in {others === 1 ? "the other one" : `the ${count(others, "other")}`}
        </Button>
      )}
    </section>
  );
}
