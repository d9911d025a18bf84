// The household as a file: with its numbers in full, which is noted, or without them; its figures as sheets.
import { useState } from "react";
import { Button } from "../ui/pieces";
import { Sheet } from "../ui/Sheet";

export function Export({ id }: { id: string }) {
  const [asking, setAsking] = useState(false);
  const leave = () => setAsking(false);
  const file = `/api/households/${id}/file`;
  const sheet = `/api/households/${id}/sheets`;
  const link = "block border border-rule px-3 py-2 hover:border-plum";
  return (
    <>
      <Button tone="bar" onClick={() => setAsking(true)}>
        Export
      </Button>
      {asking && (
        <Sheet
          title="Export the household"
          about="A file that Hembo and other programs read, or sheets of a spreadsheet."
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
            <a className={link} href={`${sheet}.xlsx`} download onClick={leave}>
              <b>Figures as XLSX</b>
              <span className="block text-soft">
                The Spread, the ways, the forms and the papers, a sheet each; numbers stay hidden.
              </span>
            </a>
            <p className="px-3">
              <span className="text-soft">Or one of them as CSV: </span>
              {["Spread", "Ways", "Forms", "Papers"].map((name) => (
                <a
                  key={name}
                  className="mr-3 text-petrol underline underline-offset-2"
                  href={`${sheet}/${name}`}
                  download={`${name}.csv`}
                  onClick={leave}
                >
                  {name}
                </a>
              ))}
            </p>
          </div>
        </Sheet>
      )}
    </>
  );
}
