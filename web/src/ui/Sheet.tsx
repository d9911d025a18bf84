// A dialog: a sheet over the desk.
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

const SIZES = {
  plain: "top-24 max-h-[80vh] w-140",
  wide: "top-24 max-h-[80vh] w-200",
  whole: "top-6 max-h-[94vh] w-320",
};

export function Sheet({
  title,
  about,
  size,
  onClose,
  children,
}: {
  title: string;
  about: string;
  /** How much of the desk it takes: a part of it where nothing is said. */
  size?: "wide" | "whole";
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/35" />
        <Dialog.Content
          className={`fixed z-50 left-1/2 max-w-[96vw] max-desk:top-3 max-desk:max-h-[94dvh] -translate-x-1/2 overflow-auto border-t-4 border-plum bg-sheet p-5 ${SIZES[size ?? "plain"]}`}
        >
          <Dialog.Title className="text-lg font-bold">{title}</Dialog.Title>
          <Dialog.Description className="mb-3 text-soft">{about}</Dialog.Description>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
