import { MouseSensor, TouchSensor, useSensor, useSensors } from "@dnd-kit/core";

/** Sensors for dragging list items: immediately with the mouse, after holding still with a finger, so that swiping scrolls the list. */
export function useDragSensors(): ReturnType<typeof useSensors> {
  return useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 6 } }),
  );
}
