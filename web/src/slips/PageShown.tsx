// A page of a slip, with the places that were read marked on it.
import { useRef, useState } from "react";
import type { SlipRead } from "../api/types";

type Props = {
  /** Where the picture is. */
  src: string;
  label: string;
  /** What was read on it. */
  reads?: SlipRead[];
  /** What is looked at. */
  at?: SlipRead;
};

/** How wide a page is, in the units of places on it. */
const WIDTH = 10_000;

export function PageShown({ src, label, reads = [], at }: Props) {
  const [tall, setTall] = useState(0);
  const [missing, setMissing] = useState(false);
  const marked = useRef<SlipRead>(undefined);
  const style = ({ at: { left, top, width, height } }: SlipRead) => ({
    left: `${left / 100}%`,
    width: `${width / 100}%`,
    top: `${(top / (tall * WIDTH)) * 100}%`,
    height: `${(height / (tall * WIDTH)) * 100}%`,
  });
  const show = (element: HTMLElement | null) => {
    if (!element || !at || marked.current === at) return;
    marked.current = at;
    element.scrollIntoView({ block: "nearest" });
  };
  if (missing) return <p className="text-ochre">{label} is not kept here, or cannot be fetched just now.</p>;
  return (
    <div className="relative border border-rule bg-white">
      <img
        src={src}
        alt={label}
        className="block w-full"
        onError={() => setMissing(true)}
        onLoad={({ currentTarget: { naturalHeight, naturalWidth } }) =>
          setTall(naturalHeight / Math.max(1, naturalWidth))
        }
      />
      {tall > 0 &&
        reads.map((read, i) => (
          <span
            key={i}
            ref={read === at ? show : undefined}
            aria-hidden="true"
            className={`pointer-events-none absolute -m-0.5 box-content p-0.5 ${
              read === at ? "bg-ochre/30 outline-2 outline-ochre" : "bg-petrol/10"
            }`}
            style={style(read)}
          />
        ))}
    </div>
  );
}
