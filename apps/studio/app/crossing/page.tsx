import type { Metadata } from "next";
import { Crossing } from "@/crossing/crossing";

export const metadata: Metadata = { title: "The Crossing" };

/** `/crossing?project=…&delivery=…`: the example game with a delivery of a project that is open in another tab. */
export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | string[] | undefined>> }) {
  const { project, delivery } = await searchParams;
  return <Crossing project={String(project ?? "")} delivery={String(delivery ?? "")} />;
}
