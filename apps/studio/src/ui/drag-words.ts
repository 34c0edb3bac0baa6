import type { DndContextProps } from "@dnd-kit/core";
import { t } from "./words";

/** What a screen reader says of dragging; the library's own words name items by their ids. */
export function dragWords(): NonNullable<DndContextProps["accessibility"]> {
  return {
    screenReaderInstructions: { draggable: t("Drag with the mouse or a finger. Keys that move it are in the list of keys.") },
    announcements: {
      onDragStart: () => t("Picked up."),
      onDragOver: () => undefined,
      onDragEnd: ({ over }) => (over ? t("Dropped.") : t("Put back.")),
      onDragCancel: () => t("Put back."),
    },
  };
}
