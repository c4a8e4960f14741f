"use server";

import { revalidatePath } from "next/cache";
import { retryCheck, stopCheck } from "@/server/tries/checks";
import { administrating, sent, sentId } from "./visitor";

const idIn = (form: FormData) => sentId(form.get("submission"));

export async function stop(form: FormData): Promise<void> {
  form = sent(form);
  await administrating();
  await stopCheck(idIn(form));
  revalidatePath("/running");
}

export async function retry(form: FormData): Promise<void> {
  form = sent(form);
  await administrating();
  await retryCheck(idIn(form));
  revalidatePath("/running");
}
