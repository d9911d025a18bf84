// The templates of letters: text with merge fields and conditions, tried with this household before it is kept.
import { useState } from "react";
import type { LetterLanguage, LetterOpened } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";
import { useLetterChanges } from "./useLetter";

/** Each by its own name. */
const LANGUAGES: Record<LetterLanguage, string> = {
  en: "English",
  es: "Español",
  fr: "Français",
  de: "Deutsch",
  af: "Afrikaans",
};

type Props = { of: LetterOpened; close: () => void };

export function Templates({ of, close }: Props) {
  const { opened } = useDesk();
  const { template, drop } = useLetterChanges(opened.id, opened.revision);
  const [at, setAt] = useState(of.templates[0]?.id);
  const shown = of.templates.find((one) => one.id === at);
  return (
    <Sheet
      title="Templates"
      about="A blank line ends a paragraph, # begins a heading, - an entry of a list; ** stands around bold words."
      size="wide"
      onClose={close}
    >
      <form
        key={at ?? "new"}
        onSubmit={(event) => {
          event.preventDefault();
          const form = new FormData(event.currentTarget);
          template.mutate(
            {
              name: String(form.get("name")),
              body: String(form.get("body")),
              language: form.get("language") as LetterLanguage,
            },
            { onSuccess: close },
          );
        }}
      >
        <div className="mb-2 flex flex-wrap gap-2">
          {of.templates.map((one) => (
            <Button key={one.id} aria-pressed={one.id === at} onClick={() => setAt(one.id)}>
              {one.name}
            </Button>
          ))}
          <Button tone="quiet" onClick={() => setAt(undefined)}>
            Another one
          </Button>
        </div>
        <div className="grid grid-cols-[1fr_14rem] gap-3">
          <label className="block">
            Name
            <input name="name" className="box" defaultValue={shown?.name} required maxLength={60} />
          </label>
          <label className="block">
            Language of amounts and days
            <select name="language" className="box" defaultValue={shown?.language ?? "en"}>
              {of.languages.map((one) => (
                <option key={one} value={one}>
                  {LANGUAGES[one]}
                </option>
              ))}
            </select>
          </label>
        </div>
        <label className="mt-2 block">
          Text
          <textarea
            name="body"
            className="box h-auto! py-1 font-mono text-[12px]"
            rows={13}
            defaultValue={shown?.body}
            required
            maxLength={20000}
            spellCheck={false}
          />
        </label>
        {(template.error ?? drop.error) && (
          <p role="alert" className="mt-2 border-l-4 border-ochre bg-sand px-3 py-1.5">
            {(template.error ?? drop.error)?.message}
          </p>
        )}
        <div className="mt-3 flex gap-2">
          <Button type="submit" tone="main" disabled={template.isPending}>
            Keep
          </Button>
          <Button onClick={close}>Leave it</Button>
          {shown && (
            <Button
              tone="quiet"
              className="ml-auto"
              onClick={() => drop.mutate(shown.id, { onSuccess: () => setAt(of.templates[0]?.id) })}
            >
              Let {shown.name} go
            </Button>
          )}
        </div>
      </form>
      <h3 className="mt-4 mb-1">What a template can name</h3>
      <dl className="grid grid-cols-[13rem_1fr] gap-y-0.5">
        {of.fields.map((one) => (
          <div key={one.name} className="contents">
            <dt>
              <code>{`{{ ${one.name} }}`}</code>
            </dt>
            <dd className="text-soft">{one.what}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  );
}
