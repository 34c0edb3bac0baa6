import { useEffect } from "react";
import { useView } from "./view";

/** What was just made waits to be named: the field of this id gets the focus, once. */
export function useNaming(fieldId: string): void {
  const naming = useView((view) => view.naming);
  useEffect(() => {
    if (!naming) return;
    useView.setState({ naming: false });
    document.getElementById(fieldId)?.focus();
  }, [naming, fieldId]);
}
