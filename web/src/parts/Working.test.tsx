import { act, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { endJob, newJob, tellJob } from "../data/progress";
import { Working } from "./Working";

it("long work says what it does and how far it is, and can be stopped", async () => {
  const asked: string[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    asked.push(new URL(request.url).pathname);
    return new Response("{}", { headers: { "Content-Type": "application/json" } });
  });
  const job = newJob();
  render(<Working what="prices.csv" job={job} />);
  expect(screen.getByRole("status").textContent).toBe("prices.csv …");
  act(() => tellJob(job, { what: "reading rows", done: 500, of: 2000 }));
  expect(screen.getByRole("status").textContent).toBe("prices.csv: reading rows, 500 of 2,000");
  expect(screen.getByRole("progressbar").getAttribute("aria-valuenow")).toBe("25");
  await userEvent.click(screen.getByText("Stop"));
  await waitFor(() => expect(asked).toEqual([`/api/jobs/${job}/stop`]));
  act(() => endJob(job));
  expect(screen.getByRole("status").textContent).toBe("prices.csv …");
});
