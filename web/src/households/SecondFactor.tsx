// One's own second factor: put into an authenticator, asked for once a code of it fits, ended by who knows the password.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import { focusAtOnce } from "../ui/focus";
import { count } from "../ui/format";
import { Button } from "../ui/pieces";

type Begun = { secret: string; picture: string };

export function SecondFactor() {
  const queries = useQueryClient();
  const stands = useQuery({
    queryKey: ["second"],
    queryFn: () => ask(api.GET("/api/account/second")),
    staleTime: 0,
  });
  const [begun, setBegun] = useState<Begun>();
  const [codes, setCodes] = useState<string[]>();
  const [wrong, setWrong] = useState<string>();
  const tried = async (work: () => Promise<void>) => {
    try {
      await work();
      setWrong(undefined);
    } catch (error) {
      setWrong((error as Refusal).message);
    }
    await queries.invalidateQueries({ queryKey: ["second"] });
  };
  const begin = () => tried(async () => setBegun(await ask(api.POST("/api/account/second"))));
  const confirm = (code: string) =>
    tried(async () => {
      const made = await ask(api.PUT("/api/account/second", { body: { code } }));
      setBegun(undefined);
      setCodes(made.codes);
    });
  const end = (password: string) =>
    tried(async () => {
      await ask(api.POST("/api/account/second/end", { body: { password } }));
      setCodes(undefined);
    });
  if (!stands.data) return null;
  return (
    <section className="mt-5 border-t border-rule pt-3">
      <h3 className="mb-2">Your own second factor</h3>
      {codes && <Codes codes={codes} />}
      {stands.data.asked ? (
        <End recovery={stands.data.recovery} end={(password) => void end(password)} />
      ) : begun ? (
        <Confirm of={begun} confirm={(code) => void confirm(code)} />
      ) : (
        <p>
          <span className="mr-3 text-soft">A code of your phone at each sign-in, beside the password.</span>
          <Button onClick={() => void begin()}>Set it up…</Button>
        </p>
      )}
      {wrong && (
        <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-3 py-2">
          {wrong}
        </p>
      )}
    </section>
  );
}

/** What was typed into the one box of a form. */
function typed(event: FormEvent<HTMLFormElement>) {
  event.preventDefault();
  return String(new FormData(event.currentTarget).get("typed"));
}

function Confirm({ of, confirm }: { of: Begun; confirm: (code: string) => void }) {
  return (
    <form className="flex gap-4" onSubmit={(event) => confirm(typed(event))}>
      <img
        src={`data:image/png;base64,${of.picture}`}
        alt="The secret, to be read by an authenticator"
        className="size-36 shrink-0"
      />
      <div>
        <p>Read it with an authenticator on your phone, or type this into one:</p>
        <code className="my-1 block font-semibold break-all">{of.secret.match(/.{1,4}/g)?.join(" ")}</code>
        <label className="mt-2 block">
          <span className="block">Then the code that it shows</span>
          <input
            name="typed"
            className="box mt-1 w-32!"
            inputMode="numeric"
            autoComplete="one-time-code"
            required
            ref={focusAtOnce}
          />
        </label>
        <Button type="submit" className="mt-2">
          Ask for it from now on
        </Button>
      </div>
    </form>
  );
}

function Codes({ codes }: { codes: string[] }) {
  return (
    <div role="status" className="mb-3 border-l-4 border-petrol bg-wash px-3 py-2">
      <p>
        It is asked for from now on. Should the phone be lost, each of these signs you in once. They are shown
        this once: print them, or keep them away from the phone.
      </p>
      <ul className="mt-1 grid grid-cols-2 gap-x-4">
        {codes.map((code) => (
          <li key={code}>
            <code>{code}</code>
          </li>
        ))}
      </ul>
    </div>
  );
}

function End({ recovery, end }: { recovery: number; end: (password: string) => void }) {
  return (
    <form className="flex flex-wrap items-end gap-2" onSubmit={(event) => end(typed(event))}>
      <p className="w-full">
        It is asked for at each sign-in; {count(recovery, "code")} for a lost phone{" "}
        {recovery === 1 ? "is" : "are"} left.
      </p>
      <label>
        Your password
        <input className="box" type="password" name="typed" autoComplete="current-password" required />
      </label>
      <Button type="submit">Ask for it no more</Button>
    </form>
  );
}
