// The people of the practice, for its administrators: invited by a link, their roles, signed out, barred.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import type { Account } from "../api/types";
import { count } from "../ui/format";
import { Button, Waiting } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

const ROLES: Account["role"][] = ["preparer", "reviewer", "administrator"];

/** A link that was made, and for whom. */
type Given = { name: string; link: string };

export function People({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const people = useQuery({ queryKey: ["people"], queryFn: () => ask(api.GET("/api/people")) });
  const [given, setGiven] = useState<Given | null>(null);
  const keep = (all: Account[]) => {
    queries.setQueryData(["people"], all);
    void queries.invalidateQueries({ queryKey: ["practice"] });
  };
  const act = useMutation({
    mutationFn: async (what: () => Promise<Account[] | undefined>) => {
      const all = await what();
      if (all) keep(all);
      else await queries.invalidateQueries({ queryKey: ["people"] });
    },
  });
  const path = (one: Account) => ({ params: { path: { id: one.id } } });
  const set = (one: Account, role: Account["role"], disabled: boolean) =>
    act.mutate(() => ask(api.PUT("/api/people/{id}", { ...path(one), body: { role, disabled } })));
  const signOut = (one: Account) => act.mutate(() => ask(api.POST("/api/people/{id}/sign-out", path(one))));
  const invite = (one: Account) =>
    act.mutate(async () => {
      const { link } = await ask(api.POST("/api/people/{id}/invite", path(one)));
      setGiven({ name: one.name, link });
      return undefined;
    });
  return (
    <Sheet
      title="People of the practice"
      about="A link sets a password once, within three days. Who may no longer sign in is signed out at once."
      size="wide"
      onClose={onClose}
    >
      {given && <GivenLink given={given} />}
      {act.error && (
        <p role="alert" className="mb-3 border-l-4 border-ochre bg-sand px-3 py-2">
          {act.error.message}
        </p>
      )}
      {people.data ? (
        <table className="w-full">
          <thead>
            <tr className="border-b border-ink text-left text-soft">
              <th scope="col" className="py-1 font-normal">
                Name
              </th>
              <th scope="col" className="font-normal">
                Signs in as
              </th>
              <th scope="col" className="font-normal">
                Role
              </th>
              <th scope="col" className="font-normal">
                Standing
              </th>
              <td />
            </tr>
          </thead>
          <tbody>
            {people.data.map((one) => (
              <tr key={one.id} className={`row-line ${one.disabled ? "text-soft" : ""}`}>
                <th scope="row" className="py-1.5 text-left">
                  {one.name}
                </th>
                <td>{one.login}</td>
                <td>
                  <select
                    aria-label={`Role of ${one.name}`}
                    className="box w-auto"
                    value={one.role}
                    onChange={(e) => set(one, e.target.value as Account["role"], one.disabled)}
                  >
                    {ROLES.map((role) => (
                      <option key={role}>{role}</option>
                    ))}
                  </select>
                </td>
                <td>{standing(one)}</td>
                <td className="space-x-2 text-right">
                  {one.sessions > 0 && (
                    <Button tone="quiet" onClick={() => signOut(one)} aria-label={`Sign ${one.name} out`}>
                      sign out
                    </Button>
                  )}
                  {!one.disabled && (
                    <Button tone="quiet" onClick={() => invite(one)} aria-label={`New link for ${one.name}`}>
                      new link
                    </Button>
                  )}
                  <Button
                    tone="quiet"
                    onClick={() => set(one, one.role, !one.disabled)}
                    aria-label={`${one.disabled ? "Let in" : "Disable"} ${one.name}`}
                  >
                    {one.disabled ? "let in again" : "disable"}
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <Waiting what="Asking…" />
      )}
      <Invite
        done={(made) => {
          setGiven(made);
          void queries.invalidateQueries({ queryKey: ["people"] });
          void queries.invalidateQueries({ queryKey: ["practice"] });
        }}
      />
    </Sheet>
  );
}

function standing(one: Account) {
  if (one.disabled) return "may not sign in";
  if (one.without_password) return "has no password yet";
  const now = one.sessions > 0 ? `signed in, ${count(one.sessions, "browser")}` : "signed out";
  return one.second_factor ? `${now}, with a second factor` : now;
}

/** A link is shown once: only its hash is kept. */
function GivenLink({ given }: { given: Given }) {
  const address = `${window.location.origin}${given.link}`;
  return (
    <p role="status" className="mb-3 border-l-4 border-petrol bg-wash px-3 py-2">
      <b>The link for {given.name}</b>, shown this once: give it to nobody else.
      <span className="mt-1 flex items-center gap-3">
        <code className="min-w-0 flex-1 text-[12px] break-all">{address}</code>
        <Button onClick={() => void navigator.clipboard?.writeText(address)}>Copy</Button>
      </span>
    </p>
  );
}

function Invite({ done }: { done: (given: Given) => void }) {
  const [fault, setFault] = useState("");
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const given = new FormData(form);
    const text = (name: string) => String(given.get(name));
    const body = { login: text("login"), name: text("name"), role: text("role") as Account["role"] };
    try {
      const { link } = await ask(api.POST("/api/people", { body }));
      form.reset();
      setFault("");
      done({ name: body.name, link });
    } catch (error) {
      setFault((error as Refusal).message);
    }
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="mt-5 border-t border-rule pt-3">
      <h3 className="mb-2">Invite someone</h3>
      <div className="flex flex-wrap items-end gap-2">
        <label className="flex-1">
          Name
          <input name="name" className="box" required maxLength={120} />
        </label>
        <label className="flex-1">
          Signs in as
          <input name="login" className="box" required maxLength={120} autoComplete="off" />
        </label>
        <label>
          <span className="block">Role</span>
          <select name="role" className="box w-auto">
            {ROLES.map((role) => (
              <option key={role}>{role}</option>
            ))}
          </select>
        </label>
        <Button type="submit" tone="main">
          Make a link
        </Button>
      </div>
      {fault && (
        <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-3 py-2">
          {fault}
        </p>
      )}
    </form>
  );
}
