import { MouseSensor, TouchSensor, useSensor, useSensors } from "@dnd-kit/core";

/** Dragging things of a list: by the mouse at once, by a finger after holding it still, so that swiping moves the list. */
export function useDragSensors(): ReturnType<typeof useSensors> {
  return useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 6 } }),
  );
}
