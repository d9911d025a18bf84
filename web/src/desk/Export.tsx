// The household as a file: with its numbers in full, which is noted, or without them.
import { useState } from "react";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

export function Export({ id }: { id: string }) {
  const [asking, setAsking] = useState(false);
  const leave = () => setAsking(false);
  const file = `/api/households/${id}/file`;
  const link = "block border border-rule px-3 py-2 hover:border-plum";
  return (
    <>
      <Button tone="bar" onClick={() => setAsking(true)}>
        Export
      </Button>
      {asking && (
        <Sheet
          title="Export the household"
          about="A file that Hembo and other programs read."
          onClose={leave}
        >
          <div className="space-y-2">
            <a className={link} href={file} download onClick={leave}>
              <b>With full numbers</b>
              <span className="block text-soft">
                Identification and account numbers stand in it, open to whoever has the file. That is noted in
                the audit.
              </span>
            </a>
            <a className={link} href={`${file}?numbers=false`} download onClick={leave}>
              <b>Without numbers</b>
              <span className="block text-soft">They are left out; everything else is there.</span>
            </a>
          </div>
        </Sheet>
      )}
    </>
  );
}
