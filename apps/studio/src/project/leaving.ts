/** Asks before leaving a project whose changes cannot be saved: nothing is dropped unless a person says so. */
import { create } from "zustand";

interface Question {
  readonly name: string;
  readonly why: string;
  readonly answer: (answer: "discard" | "stay") => void;
}

export const useLeaving = create<{ readonly question: Question | null }>(() => ({ question: null }));

/** "discard" also covers a project that was saved to a file and may then be left. */
export function askBeforeLeaving(name: string, why: string): Promise<"discard" | "stay"> {
  useLeaving.getState().question?.answer("stay");
  return new Promise((resolve) => {
    const answer = (given: "discard" | "stay") => {
      useLeaving.setState({ question: null });
      resolve(given);
    };
    useLeaving.setState({ question: { name, why, answer } });
  });
}
