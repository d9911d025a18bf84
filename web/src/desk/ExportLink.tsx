// The household file as a download; the numbers in it are shown in full, which the server notes.
export function ExportLink({ id }: { id: string }) {
  return (
    <a href={`/api/households/${id}/file`} download className="px-2 py-1 text-white/90 hover:bg-white/15">
      Export
    </a>
  );
}
