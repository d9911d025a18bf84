// One's own password, changed by who knows the one of now; every other browser is signed out.
import { type FormEvent, useState } from "react";
import { api, ask, type Refusal } from "../api/client";
import { Button } from "../ui/pieces";

export function OwnPassword() {
  const [told, setTold] = useState<{ words: string; wrong: boolean } | null>(null);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const given = new FormData(form);
    const body = { password: String(given.get("password")), new: String(given.get("new")) };
    try {
      await ask(api.PUT("/api/account/password", { body }));
      form.reset();
      setTold({ words: "Changed. Every other browser is signed out.", wrong: false });
    } catch (error) {
      setTold({ words: (error as Refusal).message, wrong: true });
    }
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="border-t border-rule pt-3">
      <h3 className="mb-2">Your own password</h3>
      <div className="flex flex-wrap items-end gap-2">
        <label className="flex-1">
          The one of now
          <input className="box" type="password" name="password" autoComplete="current-password" required />
        </label>
        <label className="flex-1">
          The one to come
          <input className="box" type="password" name="new" autoComplete="new-password" required />
        </label>
        <Button type="submit">Change it</Button>
      </div>
      {told && (
        <p
          role={told.wrong ? "alert" : "status"}
          className={`mt-2 border-l-4 px-3 py-2 ${told.wrong ? "border-ochre bg-sand" : "border-petrol bg-wash"}`}
        >
          {told.words}
        </p>
      )}
    </form>
  );
}
