/** Clips of a source follow its metadata file, and what became of them is said. */
import { type ArrivedClips, type ClipChoices, type ClipNews, type ToldOfSource, withClipsAsTold } from "@caravan/core/edit";
import type { Project, SourceId } from "@caravan/core/model";
import { say } from "../ui/notices";
import { t } from "../ui/words";

interface Following {
  /** The change of a project that cuts the source as the file says, with its clips following. */
  after(cut: (project: Project) => Project, arrived?: ArrivedClips): (project: Project) => Project;
  /** Says what became of the clips, once the change was made; nothing if nothing did. */
  tell(file: string): void;
  /** The same in words, for a message that says more. */
  inWords(file: string): string;
}

/** Arguments as in `withClipsAsTold`. */
export function followClips(id: SourceId, now: ToldOfSource, before: ToldOfSource | null, choices: ClipChoices): Following {
  let news: ClipNews | null = null;
  return {
    after: (cut, arrived) => (project) => {
      const followed = withClipsAsTold(project, cut(project), id, now, before, choices, arrived);
      news = followed.news;
      return followed.project;
    },
    inWords: (file) => (news ? sentences(news, file).join(" ") : ""),
    tell: (file) => {
      const words = news ? sentences(news, file) : [];
      const isTrouble = news !== null && news.kept.length + news.unlisted.length > 0;
      if (words.length > 0) say({ tone: isTrouble ? "trouble" : "good", text: words.join(" ") });
    },
  };
}

/** Names beyond these are only counted. */
const MOST_NAMES = 4;

function sentences({ added, changed, removed, kept, unlisted }: ClipNews, file: string): string[] {
  const listed = (names: readonly string[]) =>
    names.length > MOST_NAMES
      ? t("{names} and {count} more", { names: names.slice(0, MOST_NAMES).join(", "), count: names.length - MOST_NAMES })
      : names.join(", ");
  return [
    ...(added.length > 0 ? [t("Clips added: {clips}.", { clips: listed(added) })] : []),
    ...(changed.length > 0 ? [t("Clips changed as {file} says: {clips}.", { file, clips: listed(changed) })] : []),
    ...(removed.length > 0 ? [t("Read this way, these are no clips, and were removed: {clips}.", { clips: listed(removed) })] : []),
    ...(kept.length > 0
      ? [
          t("{file} has {clips} otherwise: yours stays. To have the file's, remove yours and drop {file} again.", {
            file,
            clips: listed(kept),
          }),
        ]
      : []),
    ...(unlisted.length > 0
      ? [t("{file} does not have {clips} any more; the project keeps them.", { file, clips: listed(unlisted) })]
      : []),
  ];
}
