import { redirect } from "next/navigation";
import { demoPeople } from "@/server/people";
import { SignIn } from "@/ui/course/sign-in";
import { signInDemo } from "./actions";
import { visitor } from "./visitor";

export const dynamic = "force-dynamic";

export default async function Page() {
  if (await visitor()) redirect("/courses");
  return <SignIn demo={await demoPeople()} signInDemo={signInDemo} />;
}
