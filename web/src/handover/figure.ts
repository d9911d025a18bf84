// A figure of the return within a letter: one that has changed since is marked as such.
import { Mark } from "@tiptap/core";
import { Plugin, PluginKey } from "@tiptap/pm/state";
import { Decoration, DecorationSet } from "@tiptap/pm/view";

export type Figures = Record<string, string>;

const KEY = new PluginKey("figures");

export const Figure = Mark.create<{ now: () => Figures }>({
  name: "figure",
  // What is typed beside a figure is no part of it.
  inclusive: false,
  addOptions: () => ({ now: () => ({}) }),
  addAttributes: () => ({ name: { default: null } }),
  parseHTML: () => [{ tag: "span[data-figure]", getAttrs: (span) => ({ name: span.dataset.figure }) }],
  renderHTML: ({ mark }) => ["span", { "data-figure": mark.attrs.name }, 0],
  addProseMirrorPlugins() {
    const { now } = this.options;
    return [
      new Plugin({
        key: KEY,
        props: {
          decorations(state) {
            const found: Decoration[] = [];
            state.doc.descendants((node, at) => {
              const name = node.marks.find((mark) => mark.type.name === "figure")?.attrs.name;
              const figure = now()[name];
              if (node.isText && figure !== undefined && figure !== node.text) {
                found.push(
                  Decoration.inline(at, at + node.nodeSize, {
                    class: "bg-sand text-ochre underline decoration-dotted",
                    title: `now ${figure}`,
                  }),
                );
              }
            });
            return DecorationSet.create(state.doc, found);
          },
        },
      }),
    ];
  },
});
