import { useState } from "react";
import { Button, Dialog, DialogTrigger } from "react-aria-components";
import { useActions } from "../../../app/actions";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { TextButton } from "../../../parts/Button";
import { number } from "../../../parts/format";
import * as S from "./Filter.styles";
import { everything, fromAddress, queryOf } from "./filter";
import { useSift } from "../useSift";

/** Filters saved by name. */
export function SavedFilters() {
  const { summary } = usePlan();
  const send = usePlanChange();
  const { filter, setFilter } = useSift();
  const [name, setName] = useState("");
  const saved = summary.own.saved_filters;
  const query = queryOf(filter);
  const keep = (filters: typeof saved) => void send("patch", "/own", { saved_filters: filters });
  const clear = () => setFilter(everything);
  useActions([
    { name: "Show every keyword: no filter", run: clear },
    ...saved.map((one) => ({
      name: `Filter: ${one.name}`,
      run: () => setFilter(fromAddress(new URLSearchParams(one.query))),
    })),
  ]);
  return (
    <>
      {query && <TextButton onPress={clear}>clear</TextButton>}
      <DialogTrigger>
        <TextButton>saved{saved.length > 0 && ` (${number(saved.length)})`}</TextButton>
        <S.Pop>
          <Dialog aria-label="Saved filters">
            {({ close }) => (
              <S.Ends>
                {saved.map((one) => (
                  <S.SavedRow key={one.name}>
                    <TextButton
                      onPress={() => {
                        setFilter(fromAddress(new URLSearchParams(one.query)));
                        close();
                      }}
                    >
                      {one.name}
                    </TextButton>
                    <Button
                      aria-label={`Forget ${one.name}`}
                      onPress={() => keep(saved.filter((other) => other.name !== one.name))}
                    >
                      ×
                    </Button>
                  </S.SavedRow>
                ))}
                <label>
                  save this one as
                  <input
                    value={name}
                    onChange={(event) => setName(event.currentTarget.value)}
                    onKeyDown={(event) => {
                      event.stopPropagation();
                      if (event.key !== "Enter" || !name.trim()) return;
                      keep([
                        ...saved.filter((one) => one.name !== name.trim()),
                        { name: name.trim(), query },
                      ]);
                      setName("");
                      close();
                    }}
                  />
                </label>
              </S.Ends>
            )}
          </Dialog>
        </S.Pop>
      </DialogTrigger>
    </>
  );
}
