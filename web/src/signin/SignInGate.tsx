// Sign-in stands before everything else.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, type ReactNode, useEffect, useState } from "react";
import { api, ask, Refusal, setToken } from "../api/client";
import type { SignedIn } from "../api/types";
import { focusAtOnce } from "../ui/focus";
import { Blank, Button, Waiting } from "../ui/pieces";

async function who(): Promise<SignedIn> {
  const signedIn = await ask(api.GET("/api/session"));
  setToken(signedIn.token);
  return signedIn;
}

export function useWho() {
  return useQuery({ queryKey: ["session"], queryFn: who });
}

export function SignInGate({ children }: { children: ReactNode }) {
  const session = useWho();
  const queries = useQueryClient();
  // A session that ran out while one works leads back here; nothing that was kept is lost.
  useEffect(() => {
    return queries.getQueryCache().subscribe((event) => {
      const error = event.query.state.error;
      const out = error instanceof Refusal && error.problem.status === 401;
      if (out && event.query.queryKey[0] !== "session") queries.invalidateQueries({ queryKey: ["session"] });
    });
  }, [queries]);
  if (session.isPending) return <Waiting what="Opening the desk…" />;
  if (!session.isError) return children;
  const { error } = session;
  if (error instanceof Refusal && error.problem.status === 401)
    return <SignIn onDone={() => queries.resetQueries()} />;
  return (
    <Blank title="The desk cannot be opened">
      <p className="mb-3">{error.message}</p>
      <Button onClick={() => session.refetch()}>Try again</Button>
    </Blank>
  );
}

function SignIn({ onDone }: { onDone: () => void }) {
  const [fault, setFault] = useState("");
  const [busy, setBusy] = useState(false);
  const [second, setSecond] = useState(false);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    setBusy(true);
    try {
      const code = form.get("code");
      const body = {
        login: String(form.get("login")),
        password: String(form.get("password")),
        code: code === null ? null : String(code),
      };
      await ask(api.POST("/api/session", { body }));
      onDone();
    } catch (error) {
      const { message, problem } = error as Refusal;
      const asked = problem?.type === "urn:hembo:second-factor";
      // The first time it is no fault: the box for the code comes.
      setFault(asked && !second ? "" : message);
      setSecond(second || asked);
      setBusy(false);
    }
  };
  return (
    <main className="grid min-h-screen grid-cols-[5fr_6fr] max-md:grid-cols-1">
      <div className="flex flex-col justify-between bg-plum p-10 text-white">
        <span className="text-[26px] font-extrabold" style={{ fontStretch: "125%" }}>
          Hembo
        </span>
        <p className="max-w-sm text-[22px] leading-snug">
          The papers go in box by box. The lowest lawful tax comes out, with the reason for every figure.
        </p>
        <ul className="space-y-1 text-white/80">
          <li>Every lawful way is weighed, none is guessed.</li>
          <li>Every figure opens down to the box it came from.</li>
          <li>Every cut shows its rule.</li>
        </ul>
      </div>
      <form onSubmit={submit} className="m-auto w-72">
        <h1 className="mb-5 text-xl">Sign in</h1>
        <label className="mb-3 block">
          Name
          <input name="login" className="box mt-1" autoComplete="username" required />
        </label>
        <label className="mb-4 block">
          Password
          <input
            name="password"
            type="password"
            className="box mt-1"
            autoComplete="current-password"
            required
          />
        </label>
        {second && (
          <label className="mb-4 block">
            Code of your authenticator, or one for a lost phone
            <input
              name="code"
              className="box mt-1"
              autoComplete="one-time-code"
              required
              maxLength={40}
              ref={focusAtOnce}
            />
          </label>
        )}
        {fault && (
          <p role="alert" className="mb-4 border-l-4 border-ochre bg-sand px-3 py-2">
            {fault}
          </p>
        )}
        <Button type="submit" tone="main" disabled={busy}>
          {busy ? "Signing in…" : "Sign in"}
        </Button>
      </form>
    </main>
  );
}
