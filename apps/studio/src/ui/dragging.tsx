"use client";

import { closestCenter, DndContext, type DndContextProps } from "@dnd-kit/core";
import type { ReactNode } from "react";
import { useDragSensors } from "./drag-sensors";
import { dragWords } from "./drag-words";

interface Props extends Pick<DndContextProps, "collisionDetection"> {
  /** Unique on the page: it connects the draggable things with their instructions for screen readers. */
  readonly id: string;
  readonly onDragEnd: NonNullable<DndContextProps["onDragEnd"]>;
  readonly children: ReactNode;
}

/** Things in it can be dragged, by mouse and by touch; onto the one whose middle is nearest, if nothing else is said. */
export function Dragging({ id, onDragEnd, collisionDetection = closestCenter, children }: Props) {
  const sensors = useDragSensors();
  return (
    <DndContext id={id} accessibility={dragWords()} sensors={sensors} collisionDetection={collisionDetection} onDragEnd={onDragEnd}>
      {children}
    </DndContext>
  );
}
