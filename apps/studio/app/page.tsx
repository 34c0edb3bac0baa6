import { Studio } from "@/shell/studio";

export default function Page() {
  return <Studio />;
}
