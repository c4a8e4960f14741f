import Link from "next/link";

export default function NotFound() {
  return (
    <main className="mx-auto max-w-md p-12">
      <h1 className="text-xl font-semibold">There is nothing here for you</h1>
      <p className="mt-2">The address may be mistyped, or it belongs to someone else.</p>
      <Link className="btn btn-primary mt-6" href="/courses">
        To your courses
      </Link>
    </main>
  );
}
