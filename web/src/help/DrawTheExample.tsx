import { useMutation } from "@tanstack/react-query";
import { GraduationCap } from "lucide-react";
import { useNavigate } from "react-router";
import { useDatabase } from "../app/StoreProvider.tsx";
import { openExample, sayStoreFault } from "../store/index.ts";

/** Opens the worked example: a job of its own, in which the rocker plate is drawn step by step. */
export const DrawTheExample = () => {
  const database = useDatabase();
  const navigate = useNavigate();
  const open = useMutation({
    mutationFn: () => openExample(database),
    onSuccess: (id) => id !== undefined && navigate(`/jobs/${id}`),
  });
  const fault = open.error
    ? sayStoreFault(open.error)
    : open.isSuccess && open.data === undefined
      ? "The rocker plate comes from the server, which doesn’t answer now. Try again later."
      : undefined;
  return (
    <span className="inline-flex items-center gap-3">
      {fault && (
        <span role="alert" className="text-fault">
          {fault}
        </span>
      )}
      <button
        type="button"
        disabled={open.isPending}
        title="A worked example in about twenty steps, in a job of its own"
        className={
          "inline-flex h-8 items-center gap-1.5 rounded-card border border-hair bg-panel px-3 " +
          "hover:border-ink disabled:opacity-50"
        }
        onClick={() => open.mutate()}
      >
        <GraduationCap size={16} aria-hidden="true" /> Draw the rocker plate
      </button>
    </span>
  );
};
