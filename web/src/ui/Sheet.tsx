// A dialog: a sheet over the desk.
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

export function Sheet({
  title,
  about,
  wide,
  onClose,
  children,
}: {
  title: string;
  about: string;
  wide?: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/35" />
        <Dialog.Content
          className={`fixed top-24 z-50 left-1/2 max-h-[80vh] max-w-[94vw] max-desk:top-3 max-desk:max-h-[94dvh] -translate-x-1/2 overflow-auto border-t-4 border-plum bg-sheet p-5 ${wide ? "w-200" : "w-140"}`}
        >
          <Dialog.Title className="text-lg font-bold">{title}</Dialog.Title>
          <Dialog.Description className="mb-3 text-soft">{about}</Dialog.Description>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
