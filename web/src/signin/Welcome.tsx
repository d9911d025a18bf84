// The page of a link by which someone sets a password, once.
import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import { Blank, Button, Waiting } from "../ui/pieces";

export function Welcome() {
  const [token] = useState(() => window.location.hash.slice(1));
  const [fault, setFault] = useState("");
  const [done, setDone] = useState(false);
  const invited = useQuery({
    queryKey: ["welcome", token],
    queryFn: () => ask(api.POST("/api/welcome", { body: { token } })),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (invited.isPending) return <Waiting what="Looking at the link…" />;
  if (invited.error) {
    return (
      <Blank title="This link cannot be used">
        <p>
          It was used already, or it is older than three days. An administrator of the practice gives another.
        </p>
      </Blank>
    );
  }
  const { name, login, shortest } = invited.data;
  if (done) {
    return (
      <Blank title="The password is set">
        <p className="mb-3">
          Sign in as <b>{login}</b>.
        </p>
        <a href="/" className="text-petrol underline">
          To the sign-in
        </a>
      </Blank>
    );
  }
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const password = String(form.get("password"));
    if (password !== form.get("again")) return setFault("The two are not the same.");
    try {
      await ask(api.PUT("/api/welcome", { body: { token, password } }));
      setDone(true);
    } catch (error) {
      setFault((error as Refusal).message);
    }
  };
  return (
    <main className="mx-auto mt-24 max-w-110 px-5">
      <h1 className="text-[22px]">Welcome, {name}</h1>
      <p className="mt-1 mb-4 text-soft">
        You sign in as <b className="text-ink">{login}</b>. Choose a password of {shortest} characters or
        more; a few words do. Whatever signs it has is up to you.
      </p>
      <form onSubmit={(event) => void submit(event)} className="space-y-3">
        <input type="hidden" name="username" autoComplete="username" value={login} readOnly />
        <label className="block">
          Password
          <input className="box" type="password" name="password" autoComplete="new-password" required />
        </label>
        <label className="block">
          The same again
          <input className="box" type="password" name="again" autoComplete="new-password" required />
        </label>
        {fault && (
          <p role="alert" className="border-l-4 border-ochre bg-sand px-3 py-2">
            {fault}
          </p>
        )}
        <Button type="submit" tone="main">
          Set the password
        </Button>
      </form>
    </main>
  );
}
