/** Gives Ctrl+V to art in the clipboard wherever it is pressed; only without any does it do what the screen binds it to. */

/**
 * Does what the screen means by pasting, unless the same key pastes files. To be returned from a key's `run`: the browser's own paste goes
 * its way, and tells which it is before this does anything.
 */
export function pasteUnlessArt(paste: () => void): false {
  let art = false;
  const hear = (event: ClipboardEvent) => {
    art = (event.clipboardData?.files.length ?? 0) > 0;
  };
  addEventListener("paste", hear, { capture: true, once: true });
  setTimeout(() => {
    removeEventListener("paste", hear, { capture: true });
    if (!art) paste();
  });
  return false;
}
