"use server";

import { revalidatePath } from "next/cache";
import { z } from "zod";
import { retryCheck, stopCheck } from "@/server/tries/checks";
import { administrating } from "./visitor";

const idIn = (form: FormData) => z.uuid().parse(form.get("submission"));

export async function stop(form: FormData): Promise<void> {
  await administrating();
  await stopCheck(idIn(form));
  revalidatePath("/running");
}

export async function retry(form: FormData): Promise<void> {
  await administrating();
  await retryCheck(idIn(form));
  revalidatePath("/running");
}
