// Dropping a slip anywhere on the desk.
import { useEffect, useState } from "react";
import { useDesk } from "../desk/useDesk";
import { SlipIn } from "./SlipIn";

/** Whether a drag carries a file, and is not over a dialog, which takes its own. */
function takes(event: DragEvent) {
  const inDialog = (event.target as HTMLElement | null)?.closest?.("[role=dialog]");
  return !inDialog && event.dataTransfer?.types.includes("Files");
}

export function DropHere() {
  const { past } = useDesk();
  const [file, setFile] = useState<File>();
  const [over, setOver] = useState(false);
  useEffect(() => {
    if (past) return;
    const dragging = (event: DragEvent) => {
      if (!takes(event)) return;
      event.preventDefault();
      setOver(true);
    };
    const left = (event: DragEvent) => event.relatedTarget === null && setOver(false);
    const dropped = (event: DragEvent) => {
      setOver(false);
      const [first] = event.dataTransfer?.files ?? [];
      if (!takes(event) || !first) return;
      event.preventDefault();
      setFile(first);
    };
    window.addEventListener("dragover", dragging);
    window.addEventListener("dragleave", left);
    window.addEventListener("drop", dropped);
    return () => {
      window.removeEventListener("dragover", dragging);
      window.removeEventListener("dragleave", left);
      window.removeEventListener("drop", dropped);
    };
  }, [past]);
  return (
    <>
      {over && (
        <p className="pointer-events-none fixed inset-3 z-30 grid place-items-center border-4 border-petrol bg-sheet/85 text-lg font-bold">
          Drop a slip here: PDF, PNG or JPEG
        </p>
      )}
      {file && <SlipIn file={file} close={() => setFile(undefined)} />}
    </>
  );
}
