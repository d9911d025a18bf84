// A slip chosen from the disk.
import { useRef, useState } from "react";
import type { Paper } from "../api/types";
import { useDesk } from "../desk/useDesk";
import { SlipIn } from "./SlipIn";

type Props = { to?: Paper; className: string; children: React.ReactNode };

export function ChooseFile({ to, className, children }: Props) {
  const { past } = useDesk();
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File>();
  if (past) return null;
  return (
    <>
      <button type="button" className={className} onClick={() => input.current?.click()}>
        {children}
      </button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label="A slip as a file"
        accept="application/pdf,image/png,image/jpeg"
        onChange={(event) => {
          setFile(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      {file && <SlipIn file={file} to={to} close={() => setFile(undefined)} />}
    </>
  );
}
