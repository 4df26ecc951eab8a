/** What is wrong with the form as a whole. */
export function FormAlert({ message }: { message: string | undefined | null }) {
  if (!message) return null;
  return (
    <p role="alert" className="mb-3 border-l-4 border-fault bg-fault-card px-3 py-2 text-sm font-semibold">
      {message}
    </p>
  );
}
