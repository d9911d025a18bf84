// The letter in an editor: kept after a rest and when it is left, with the figures in it that have changed since.
import { ListItem } from "@tiptap/extension-list";
import { EditorContent, useEditor, useEditorState } from "@tiptap/react";
import StarterKit from "@tiptap/starter-kit";
import { useCallback, useEffect, useRef, useState } from "react";
import type { LetterBody, LetterOpened } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { startTyping, stopTyping } from "../entry/typing";
import { time } from "../ui/format";
import { Button } from "../ui/pieces";
import { Figure, type Figures } from "./figure";
import { useLetterChanges } from "./useLetter";

/** Typing is kept after so many milliseconds of rest. */
const REST = 1_200;

/** An entry of a list has words, and no list of its own. */
const Entry = ListItem.extend({ content: "paragraph+" });

const KIT = StarterKit.configure({
  listItem: false,
  blockquote: false,
  code: false,
  codeBlock: false,
  horizontalRule: false,
  link: false,
  orderedList: false,
  strike: false,
  underline: false,
  heading: { levels: [2] },
});

type Letter = NonNullable<LetterOpened["letter"]>;

type Props = { letter: Letter; figures: Figures; theirs: () => void };

export default function LetterEditor({ letter, figures, theirs }: Props) {
  const { opened, past } = useDesk();
  const changes = useLetterChanges(opened.id, opened.revision);
  const now = useRef(figures);
  now.current = figures;
  const version = useRef(letter.version);
  const [refused, setRefused] = useState<string | null>(null);
  const [waiting, setWaiting] = useState(false);
  const rest = useRef<number>(undefined);

  const editor = useEditor({
    extensions: [KIT, Entry, Figure.configure({ now: () => now.current })],
    content: letter.body,
    editable: !past,
    editorProps: { attributes: { "aria-label": "Letter", role: "textbox", "aria-multiline": "true" } },
    onUpdate: () => {
      setWaiting(true);
      startTyping(flush.current);
      clearTimeout(rest.current);
      rest.current = window.setTimeout(flush.current, REST);
    },
    onBlur: () => flush.current(),
  });

  const kept = useRef<LetterBody | null>(letter.body as unknown as LetterBody);
  // One after the other: the next one is kept after the version that the one before made.
  const queue = useRef<Promise<void>>(Promise.resolve());
  const send = useCallback(async () => {
    if (!editor || !dirty(editor.getJSON(), kept.current)) return;
    const body = editor.getJSON() as LetterBody;
    kept.current = body;
    try {
      const answer = await changes.keep.mutateAsync({
        base_version: version.current,
        revision: opened.revision,
        body,
      });
      version.current = answer.letter?.version ?? version.current;
      setRefused(null);
    } catch (error) {
      kept.current = null;
      setRefused((error as Error).message);
    }
    if (dirty(editor.getJSON(), body)) return;
    stopTyping(flush.current);
    setWaiting(false);
  }, [changes.keep, editor, opened.revision]);
  const keep = () => {
    clearTimeout(rest.current);
    queue.current = queue.current.then(() => newest.current());
    return queue.current;
  };
  const newest = useRef(send);
  newest.current = send;
  const latest = useRef(keep);
  latest.current = keep;
  const flush = useRef(() => void latest.current());
  useEffect(() => {
    const last = flush.current;
    return () => {
      last();
      stopTyping(last);
    };
  }, []);

  const stale = useEditorState({
    editor,
    selector: ({ editor }) => staleFigures(editor?.getJSON() as LetterBody | undefined, figures),
  });
  const takeOver = () => {
    if (!editor) return;
    const { tr, doc, schema } = editor.state;
    // From the end, so that places before stay where they are.
    const places: { from: number; to: number; name: string }[] = [];
    doc.descendants((node, at) => {
      const name = node.marks.find((mark) => mark.type.name === "figure")?.attrs.name;
      if (node.isText && figures[name] !== undefined && figures[name] !== node.text) {
        places.push({ from: at, to: at + node.nodeSize, name });
      }
    });
    for (const { from, to, name } of places.toReversed()) {
      const marks = doc.resolve(from + 1).marks();
      tr.replaceWith(from, to, schema.text(figures[name] ?? "", marks));
    }
    editor.view.dispatch(tr);
    void keep();
  };
  const keepMine = async () => {
    version.current = await changes.newest();
    void keep();
  };
  if (!editor) return null;
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-1">
        <Tool label="Bold" on={editor.isActive("bold")} act={() => editor.chain().focus().toggleBold().run()}>
          <b>B</b>
        </Tool>
        <Tool
          label="Italics"
          on={editor.isActive("italic")}
          act={() => editor.chain().focus().toggleItalic().run()}
        >
          <i>I</i>
        </Tool>
        <Tool
          label="Heading"
          on={editor.isActive("heading")}
          act={() => editor.chain().focus().toggleHeading({ level: 2 }).run()}
        >
          Heading
        </Tool>
        <Tool
          label="List"
          on={editor.isActive("bulletList")}
          act={() => editor.chain().focus().toggleBulletList().run()}
        >
          • List
        </Tool>
        <Tool label="Undo in the letter" act={() => editor.chain().focus().undo().run()}>
          ↶
        </Tool>
        <Tool label="Redo in the letter" act={() => editor.chain().focus().redo().run()}>
          ↷
        </Tool>
        <span role="status" className="ml-auto text-[12px] text-soft">
          {waiting ? "typing, not kept yet" : `Kept ${time(letter.at)} · version ${version.current}`}
        </span>
      </div>
      {refused && (
        <p role="alert" className="mb-2 border-l-4 border-ochre bg-sand px-3 py-1.5">
          {refused}{" "}
          <Button tone="quiet" onClick={() => void keepMine()}>
            Keep mine after theirs
          </Button>{" "}
          <Button tone="quiet" onClick={theirs}>
            Take theirs
          </Button>
        </p>
      )}
      {stale.length > 0 && (
        <p role="status" className="mb-2 border-l-4 border-ochre bg-sand px-3 py-1.5">
          Changed since: {stale.map(({ was, now }) => `${was} is ${now} now`).join(", ")}.{" "}
          <Button tone="quiet" onClick={takeOver}>
            Take the figures of today
          </Button>
        </p>
      )}
      <EditorContent editor={editor} className="letter border border-rule bg-sheet px-10 py-9" />
    </>
  );
}

type ToolProps = { label: string; on?: boolean; act: () => void; children: React.ReactNode };

function Tool({ label, on, act, children }: ToolProps) {
  return (
    <button
      type="button"
      aria-label={label}
      aria-pressed={on}
      className={`h-7 min-w-7 border border-rule px-2 ${on ? "bg-petrol text-white" : "bg-sheet hover:border-plum"}`}
      onClick={act}
    >
      {children}
    </button>
  );
}

function dirty(now: unknown, kept: unknown) {
  return JSON.stringify(now) !== JSON.stringify(kept);
}

type Stale = { was: string; now: string };

/** The figures in a letter that are others now. */
function staleFigures(body: LetterBody | undefined, figures: Figures): Stale[] {
  const found = new Map<string, Stale>();
  const walk = (node: LetterBody) => {
    const name = node.marks?.find((mark) => mark.type === "figure")?.attrs?.name;
    const now = name === undefined ? undefined : figures[name];
    if (name !== undefined && now !== undefined && node.text !== undefined && now !== node.text) {
      found.set(name, { was: node.text, now });
    }
    node.content?.forEach(walk);
  };
  if (body) walk(body);
  return [...found.values()];
}
