import { headers } from "next/headers";
import "./first-view.css";
import { beforeAnything } from "@/shell/first-view/before-anything";
import { FIRST_PICTURE, FirstView } from "@/shell/first-view/first-view";
import { Studio } from "@/shell/studio";

export default async function Page() {
  const nonce = (await headers()).get("x-nonce") ?? "";
  return (
    <>
      <script nonce={nonce} suppressHydrationWarning>
        {beforeAnything(FIRST_PICTURE)}
      </script>
      <Studio firstView={<FirstView />} />
    </>
  );
}
