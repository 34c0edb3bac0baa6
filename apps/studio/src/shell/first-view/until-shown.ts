import { create } from "zustand";
import { rememberBeing } from "./been-here";

const useFirst = create<{ readonly over: boolean }>(() => ({ over: false }));

/** Whether the studio, or why it cannot open, is to be seen instead of the first view. */
export function useFirstViewOver(): boolean {
  return useFirst((state) => state.over);
}

/** The studio shows its own pictures. */
export function shown(): void {
  rememberBeing();
  useFirst.setState({ over: true });
}

/** The studio has something else to say than its pictures. */
export function endFirstView(): void {
  useFirst.setState({ over: true });
}
