import { useState } from "react";
import { client, taken } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { endJob, jobHeader, newJob } from "../../../data/progress";
import { useSaying } from "../../../data/saying";
import { Button, MainButton, TextButton } from "../../../parts/Button";
import { Choice } from "../../../parts/Choice";
import { daySaid } from "../../../parts/days";
import { Working } from "../../../parts/Working";
import { number, plural } from "../../../parts/format";
import { Days } from "./Days";
import { Envelope } from "./Envelope";
import { OpenAccount } from "./OpenAccount";
import { Replies } from "./Replies";
import * as S from "./Practice.styles";
import { usePractice, type PracticeView } from "./usePractice";

type Shown = "reply" | "results" | "envelope";
type Account = NonNullable<PracticeView["account"]>;
const named: Record<string, [string, string]> = {
  campaigns: ["campaign", "campaigns"],
  groups: ["group", "groups"],
  keywords: ["keyword", "keywords"],
  negatives: ["negative", "negatives"],
  ads: ["ad", "ads"],
  spots: ["spot", "spots"],
};
const spans = [
  { days: 1, name: "a day" },
  { days: 7, name: "a week" },
  { days: 30, name: "30 days" },
];

/** The practice market: send the plan, read the reply, let days pass, open the envelope. */
export function Practice() {
  const { found, set } = usePractice();
  const [shown, setShown] = useState<Shown | null>(null);
  const [anew, setAnew] = useState(false);
  const view = found.data;
  const acts = useActs(set, setShown);

  if (found.isError && !anew)
    return (
      <S.Quiet role="alert">
        {said(found.error)} The plan itself is as it was.{" "}
        <TextButton onPress={() => setAnew(true)}>open another account</TextButton>
      </S.Quiet>
    );
  if (!view && !anew) return <S.Quiet>Asking the practice market …</S.Quiet>;
  if (!view?.account || anew)
    return (
      <OpenAccount
        again={anew}
        onOpened={(next) => {
          void set(next);
          setAnew(false);
          setShown(null);
        }}
        onLeave={() => setAnew(false)}
      />
    );
  const { account, sending } = view;
  const running = account.clock === "running";
  const now: Shown = shown ?? (view.days.length > 0 ? "results" : "reply");
  return (
    <S.Room>
      <S.Facts>
        <Standing view={view} account={account} />
        <TextButton onPress={() => setAnew(true)}>open another account</TextButton>
      </S.Facts>
      <Acts view={view} acts={acts} running={running} />
      {acts.job && <Working what="Handing over" job={acts.job} />}
      {running && <Passing account={account} onStop={acts.stop} />}
      {!acts.job && (
        <>
          <S.Leaves>
            <Choice
              label="What of the practice market is shown"
              inline
              value={now}
              options={[
                { id: "reply", name: "the reply sheet" },
                { id: "results", name: "what came of it" },
                { id: "envelope", name: "the envelope" },
              ]}
              onChange={setShown}
            />
          </S.Leaves>
          {now === "reply" && <Replies sending={sending} />}
          {now === "results" && <Days days={view.days} />}
          {now === "envelope" && (
            <Envelope opened={account.envelope} onOpened={() => void found.refetch()} />
          )}
        </>
      )}
    </S.Room>
  );
}

type Acts = ReturnType<typeof useActs>;

/** What the practice market is asked to do; what it answers is shown from then on. */
function useActs(set: (view: PracticeView) => Promise<void>, show: (shown: Shown) => void) {
  const { id, setSummary } = usePlan();
  const { complain } = useSaying();
  const [job, setJob] = useState<string | null>(null);
  const path = { params: { path: { plan_id: id } } };
  const attempt = async (work: () => Promise<PracticeView>, then?: Shown) => {
    try {
      const next = await work();
      await set(next);
      if (next.summary) setSummary(next.summary);
      if (then) show(then);
    } catch (error) {
      complain(error);
    }
  };
  const long = async (work: (name: string) => Promise<PracticeView>) => {
    const name = newJob();
    setJob(name);
    await attempt(() => work(name), "reply");
    endJob(name);
    setJob(null);
  };
  return {
    job,
    send: (only: "all" | "changed") =>
      void long((name) =>
        taken(
          client.POST("/api/plans/{plan_id}/practice/send", {
            ...path,
            ...jobHeader(name),
            body: { only },
          }),
        ),
      ),
    goOn: () =>
      void long((name) =>
        taken(client.POST("/api/plans/{plan_id}/practice/go-on", { ...path, ...jobHeader(name) })),
      ),
    pass: (days: number) =>
      void attempt(
        () =>
          taken(client.POST("/api/plans/{plan_id}/practice/clock", { ...path, body: { days } })),
        "results",
      ),
    stop: () =>
      void attempt(() => taken(client.DELETE("/api/plans/{plan_id}/practice/clock", path))),
  };
}

type ActsProps = { view: PracticeView; acts: Acts; running: boolean };

/** Send, go on, let days pass: what can't be done while something is under way rests. */
function Acts({ view: { sending, waits }, acts, running }: ActsProps) {
  const busy = running || acts.job !== null;
  return (
    <S.Acts>
      <MainButton isDisabled={busy} onPress={() => acts.send("changed")}>
        {waits === 0 ? "Send again" : `Send ${plural(waits, "row")}`}
      </MainButton>
      <Button isDisabled={busy} onPress={() => acts.send("all")}>
        Send the whole plan
      </Button>
      {sending !== null && sending.state !== "done" && (
        <Button isDisabled={busy} onPress={acts.goOn}>
          Go on where it was cut short
        </Button>
      )}
      <span>
        Let pass
        {spans.map((span) => (
          <Button
            key={span.days}
            isDisabled={busy || sending === null}
            onPress={() => acts.pass(span.days)}
          >
            {span.name}
          </Button>
        ))}
      </span>
    </S.Acts>
  );
}

/** What stands in the account, in a sentence or two. */
function Standing({ view, account }: { view: PracticeView; account: Account }) {
  const { sending, waits } = view;
  const live = Object.entries(account.live).filter(([, many]) => many > 0);
  return (
    <p>
      <b>A simulated account</b>, {level(account.level)}, truth no. {number(account.seed)}. Its next
      day is <b>{daySaid(account.today)}</b>.{" "}
      {sending === null
        ? "Nothing was sent to it yet."
        : `It holds ${live.map(([kind, many]) => plural(many, ...named[kind]!)).join(", ") || "nothing"}.`}{" "}
      {sending !== null && waits > 0 && (
        <S.Rose>{plural(waits, "row")} of it not as in the plan.</S.Rose>
      )}
      {sending !== null && waits === 0 && <S.Moss>It stands as the plan does.</S.Moss>}
      {account.envelope && " The envelope was opened."}
    </p>
  );
}

function Passing({ account, onStop }: { account: Account; onStop: () => void }) {
  const share = account.wanted > 0 ? account.done / account.wanted : 0;
  return (
    <S.Passing>
      <span role="status">
        {number(account.done)} of {plural(account.wanted, "day")} passed
      </span>
      <i
        role="progressbar"
        aria-label="Days passed"
        aria-valuemin={0}
        aria-valuemax={account.wanted}
        aria-valuenow={account.done}
      >
        <b style={{ width: `${share * 100}%` }} />
      </i>
      <Button onPress={onStop}>Stop</Button>
    </S.Passing>
  );
}

const said = (error: unknown): string =>
  error instanceof Error ? error.message : "The practice market did not answer.";

const level = (name: Account["level"]): string =>
  ({
    "as-planned": "a truth as near as the plan thinks",
    usual: "a truth as unlike the plan as is usual",
    rough: "a truth far from the plan",
  })[name];
