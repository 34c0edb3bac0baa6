/** Downloads files, and opens the file picker. */
import { t } from "./words";

export function saveFile(name: string, bytes: Uint8Array, type: string): void {
  const url = URL.createObjectURL(new Blob([bytes as BlobPart], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  // The browser needs the address until it has begun to write.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

/** Lets the person choose files; empty if they think better of it. */
export function chooseFiles(accept: string, multiple: boolean): Promise<File[]> {
  return asked((input) => {
    input.accept = accept;
    input.multiple = multiple;
  });
}

/** Lets the person choose a folder; all files in it and below, empty if they think better of it. */
export function chooseFolder(): Promise<File[]> {
  return asked((input) => {
    input.webkitdirectory = true;
  });
}

/** Inputs whose dialog may be open. Nothing else references them, and a browser collects unreferenced ones together with the answer. */
const open = new Set<HTMLInputElement>();

function asked(set: (input: HTMLInputElement) => void): Promise<File[]> {
  return new Promise((answer) => {
    const input = document.createElement("input");
    input.type = "file";
    set(input);
    const end = (files: Iterable<File>) => {
      open.delete(input);
      answer([...files]);
    };
    input.addEventListener("change", () => end(input.files ?? []));
    input.addEventListener("cancel", () => end([]));
    open.add(input);
    input.click();
  });
}

/** 812 bytes, 24.1 KB, 3.2 MB. */
export function sizeInWords(bytes: number): string {
  if (bytes < 1000) return t("{bytes} bytes", { bytes });
  return bytes < 1_000_000 ? `${(bytes / 1000).toFixed(1)} KB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
}
