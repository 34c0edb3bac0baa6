/** When the page has opened its first project: what arrives before, such as dropped files, is for that project and waits. */

let end = () => {};

/** Resolves when a project is open, or none can be: a file may still be dropped then. */
export const firstOpened = new Promise<void>((done) => {
  end = done;
});

export function openingEnded(): void {
  end();
}
