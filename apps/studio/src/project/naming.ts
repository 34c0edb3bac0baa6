import { useEffect } from "react";
import { useView } from "./view";

/** Marks a new item as waiting for its name: the field with this id gets the focus, once. */
export function useNaming(fieldId: string): void {
  const naming = useView((view) => view.naming);
  useEffect(() => {
    if (!naming) return;
    useView.setState({ naming: false });
    document.getElementById(fieldId)?.focus();
  }, [naming, fieldId]);
}
