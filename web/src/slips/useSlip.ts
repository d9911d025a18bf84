// A slip that came as a file: looked at by the server, and kept once somebody has seen what it says.
import { useMutation } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { SlipFile } from "../api/types";
import { useDesk } from "../desk/useDesk";

/** The largest file, in bytes. */
const LARGEST = 10 * 1024 * 1024;
/** The server takes a body as it is. */
const AS_IT_IS = {
  headers: { "content-type": "application/octet-stream" },
  bodySerializer: (body: unknown) => body as BodyInit,
} as const;

function body(file: File) {
  return file as unknown as number[];
}

/** Why a file need not be sent at all. */
export function tooLarge(file: File): string | null {
  if (file.size <= LARGEST) return null;
  return `${file.name} has ${Math.round(file.size / 1024 / 1024)} MB; a slip of at most 10 MB is read.`;
}

/** Reads a slip: its pages, and what it seems to be; as a kind, where somebody says which. */
export function useLook() {
  const { opened } = useDesk();
  return useMutation({
    mutationFn: ({ file, kind }: { file: File; kind?: string }) => {
      const params = { path: { id: opened.id }, query: { kind } };
      return ask(api.POST("/api/households/{id}/files", { params, body: body(file), ...AS_IT_IS }));
    },
  });
}

/** Keeps a slip as a file; the edit that adds it to a paper is made afterwards. */
export function useKeepFile() {
  const { opened } = useDesk();
  return (file: File): Promise<SlipFile> => {
    const params = { path: { id: opened.id }, query: { name: file.name } };
    return ask(api.PUT("/api/households/{id}/files", { params, body: body(file), ...AS_IT_IS }));
  };
}

/** Where the picture of a kept page is. */
export function pageSource(household: string, file: string, page: number) {
  return `/api/households/${household}/files/${file}/pages/${page}`;
}
