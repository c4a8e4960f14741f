"use client";

export default function Failed({ reset }: { reset: () => void }) {
  return (
    <main className="mx-auto max-w-md p-12">
      <h1 className="text-xl font-semibold">Something went wrong</h1>
      <p className="mt-2">Nothing already saved is lost.</p>
      <button className="btn btn-primary mt-6" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
