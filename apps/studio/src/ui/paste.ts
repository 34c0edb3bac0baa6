/** Handles Ctrl+V: pastes art from the clipboard if there is any, otherwise does what the screen binds it to. */

/**
 * Runs the screen's own paste, unless the same key pastes files. Return it from a key's `run`: the browser's paste event then shows which
 * it is before this does anything.
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
