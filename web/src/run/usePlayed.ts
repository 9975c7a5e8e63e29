import { useEffect, useState } from "react";
import type { CutterRun } from "@ash-edge/core/cutter";

type Told = { readonly time: number; readonly state: string };

/** How far a run is: by the server's events where it has the run, else by the page's own clock. */
export const usePlayed = (
  run: CutterRun | undefined,
  id: string | undefined,
): {
  readonly time: number;
  readonly playing: boolean;
  readonly speed: number;
  readonly setSpeed: (to: number) => void;
  readonly play: () => void;
  readonly pause: () => void;
  readonly seek: (to: number) => void;
} => {
  const [of, setOf] = useState(run);
  const [time, setTime] = useState(0);
  const [from, setFrom] = useState<number>();
  const [speed, setSpeed] = useState(10);
  const [local, setLocal] = useState(false);
  if (of !== run) {
    setOf(run);
    setTime(0);
    setFrom(undefined);
    setLocal(false);
  }
  const total = run?.time ?? 0;
  useEffect(() => {
    if (from === undefined || id === undefined || local) return undefined;
    const query = new URLSearchParams({ from: String(from), speed: String(speed) });
    const events = new EventSource(`/api/cutter/runs/${id}/events?${query.toString()}`);
    events.onmessage = ({ data }: MessageEvent<string>) => {
      const told = JSON.parse(data) as Told;
      setTime(told.time);
      if (told.state === "done") {
        events.close();
        setFrom(undefined);
      }
    };
    // the server is gone, or has the run no more: the page goes on by itself
    events.onerror = () => {
      events.close();
      setLocal(true);
    };
    return () => events.close();
  }, [from, id, local, speed]);
  useEffect(() => {
    if (from === undefined || (id !== undefined && !local)) return undefined;
    const start = performance.now();
    let frame = requestAnimationFrame(function tick(now) {
      const at = from + (speed * Math.max(0, now - start)) / 1000;
      setTime(Math.min(total, at));
      if (at < total) frame = requestAnimationFrame(tick);
      else setFrom(undefined);
    });
    return () => cancelAnimationFrame(frame);
  }, [from, id, local, speed, total]);
  return {
    time,
    playing: from !== undefined,
    speed,
    setSpeed: (to) => {
      setSpeed(to);
      setFrom((was) => (was === undefined ? undefined : time));
    },
    play: () => setFrom(time >= total ? 0 : time),
    pause: () => setFrom(undefined),
    seek: (to) => {
      setTime(to);
      setFrom((was) => (was === undefined ? undefined : to));
    },
  };
};
