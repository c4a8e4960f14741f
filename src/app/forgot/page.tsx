import { AskForKey } from "@/ui/people/door";
import { askForKey } from "../account-actions";

export default function Page() {
  return <AskForKey act={askForKey} />;
}
