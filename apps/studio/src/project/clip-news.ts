/** What becomes of clips that follow their metadata file, in words for before and after. */
import type { ClipNews } from "@caravan/core/edit";
import { say } from "../ui/notices";
import { t } from "../ui/words";

/** Names beyond these are only counted. */
const MOST_NAMES = 4;

/** The file whose clips they are: an animation has no other way to say what its clip is. */
export interface FollowedFile {
  readonly name: string;
  readonly kind: "metadata" | "animation";
}

/** `isUnlike` if clips are not as the file has them, which should not be overlooked. */
export function newsInWords(
  { added, changed, removed, kept, unlisted }: ClipNews,
  { name: file, kind }: FollowedFile,
): { readonly sentences: readonly string[]; readonly isUnlike: boolean } {
  const listed = (names: readonly string[]) =>
    names.length > MOST_NAMES
      ? t("{names} and {count} more", { names: names.slice(0, MOST_NAMES).join(", "), count: names.length - MOST_NAMES })
      : names.join(", ");
  const partly = changed.filter((name) => kept.includes(name));
  const wholly = changed.filter((name) => !kept.includes(name));
  const stay = kept.filter((name) => !changed.includes(name));
  const sentences = [
    ...(added.length > 0 ? [t("New clips: {clips}.", { clips: listed(added) })] : []),
    ...(wholly.length > 0 ? [t("Clips updated from {file}: {clips}.", { file, clips: listed(wholly) })] : []),
    ...(partly.length > 0
      ? [t("Clips updated from {file}, except where you changed the same: {clips}.", { file, clips: listed(partly) })]
      : []),
    ...(removed.length > 0 ? [t("No clips, read this way, and removed: {clips}.", { clips: listed(removed) })] : []),
    ...(stay.length > 0
      ? [
          kind === "animation"
            ? t("Clips that differ from {file}, and stay as they are here: {clips}. To have the file's, import it as a new source.", {
                file,
                clips: listed(stay),
              })
            : t("Clips that differ from {file}, and stay as they are here: {clips}. To have the file's, remove yours and drop it again.", {
                file,
                clips: listed(stay),
              }),
        ]
      : []),
    ...(unlisted.length > 0 ? [t("Clips that {file} no longer has, and that stay: {clips}.", { file, clips: listed(unlisted) })] : []),
  ];
  return { sentences, isUnlike: kept.length > 0 };
}

/** Says it, if there is anything. */
export function sayClipNews(news: ClipNews, file: FollowedFile): void {
  const { sentences, isUnlike } = newsInWords(news, file);
  if (sentences.length > 0) say({ tone: isUnlike ? "trouble" : "good", text: sentences.join(" ") });
}
