/** What clocks go by: the machine's time, or that of a test, which passes when the test says so. */
export interface Time {
  /** Milliseconds since some moment; never goes back. */
  now(): number;
  /** Milliseconds for which the machine's processor has worked for this process, in all of its threads. */
  worked(): number;
  /** Does something once, after so many milliseconds; nothing waits for it when the process ends. */
  after(ms: number, work: () => void): Waiting;
}

/** Something that is going to be done. */
export interface Waiting {
  cancel(): void;
}

export const machineTime: Time = {
  now: () => performance.now(),
  worked: () => {
    const { user, system } = process.cpuUsage();
    return (user + system) / 1000;
  },
  after(ms, work) {
    const timer = setTimeout(work, ms).unref();
    return { cancel: () => clearTimeout(timer) };
  },
};
