import type { Asked } from "@/core/check/kinds/kind";
import { checkKind, type Evidence } from "@/core/check/kinds/kinds";

/** What was measured against what, for the instructor. */
export const instructorSentence = (e: Evidence, asked: Asked): string => checkKind(e.check).toInstructor(e, asked);
/** The same for the student: their own measure and the verdict, the target only where the Sheet prints it. */
export const studentSentence = (e: Evidence, asked: Asked): string => checkKind(e.check).toStudent(e, asked);
