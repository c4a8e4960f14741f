import { SheetWindow } from "@/ui/sheet/sheet-window";
import { askedText, signedIn } from "../visitor";

export const dynamic = "force-dynamic";

/** The Sheet of a Bench in a window of its own; what it shows comes from that Bench. */
export default async function Page({ searchParams }: { searchParams: Promise<{ of?: string | string[] }> }) {
  await signedIn();
  return <SheetWindow of={askedText((await searchParams).of)} />;
}
