import type { Metadata } from "next";
import { connection } from "next/server";
import type { ReactNode } from "react";
import { Gateway } from "@/ui/parts/gateway";
import "./globals.css";

export const metadata: Metadata = {
  title: "Rusty Caliper",
  description: "Dimensioned drawing exercises, modelled in the browser and measured.",
};

export default async function Layout({ children }: { children: ReactNode }) {
  // made for each visit: a page made beforehand would not carry this answer's nonce
  await connection();
  return (
    <html lang="en">
      <body>
        <Gateway />
        {children}
      </body>
    </html>
  );
}
