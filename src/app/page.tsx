import { redirect } from "next/navigation";
import { demoPeople, isEmpty } from "@/server/people/people";
import { SignIn } from "@/ui/course/sign-in";
import { BeFirst } from "@/ui/people/door";
import { beFirst } from "./account-actions";
import { signInDemo } from "./actions";
import { visitor } from "./visitor";

export const dynamic = "force-dynamic";

export default async function Page() {
  if (await visitor()) redirect("/courses");
  if (await isEmpty()) return <BeFirst act={beFirst} />;
  return <SignIn demo={await demoPeople()} signInDemo={signInDemo} />;
}
