import { useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import { useParams, useSearchParams } from "react-router";
import { catalogueQuery } from "../../api/catalogue";
import { PlaceAway } from "../../components/layout/Away";
import { Shell } from "../../components/layout/Shell";
import { lookUp, type Wanted } from "./look_up";
import { TestList } from "./TestList";
import { TestPage } from "./TestPage";
import styles from "./tests.module.css";

const REGIONS: readonly Wanted["region"][] = ["all", "hip", "ankle", "foot"];

/** The whole catalogue to read: found by any name, each test with how it is done, read and how much it says. */
export default function TestsPlace() {
  const { test: code } = useParams();
  const [params, setParams] = useSearchParams();
  const catalogue = useQuery(catalogueQuery);
  const region = REGIONS.find((each) => each === params.get("region")) ?? "all";
  const wanted: Wanted = {
    text: params.get("find") ?? "",
    region,
    position: params.get("position") ?? "",
  };
  const looked = useDeferredValue(wanted);
  if (!catalogue.data) return <PlaceAway waiting={catalogue.failureCount > 0} />;
  const found = lookUp(catalogue.data, looked);
  const test = catalogue.data.tests.find((each) => each.code === code);
  const want = (part: Partial<Record<"find" | "region" | "position", string>>) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        for (const [name, value] of Object.entries(part)) {
          if (value === "" || value === "all") next.delete(name);
          else next.set(name, value);
        }
        return next;
      },
      { replace: true },
    );
  return (
    <Shell>
      <div className={styles.tests} data-one={test ? true : undefined}>
        <h1 className="only-read-aloud">Tests</h1>
        <TestList
          catalogue={catalogue.data}
          found={found}
          wanted={wanted}
          chosen={test?.code ?? null}
          query={params.toString()}
          onWant={want}
        />
        {test ? (
          <TestPage
            key={test.code}
            test={test}
            catalogue={catalogue.data}
            query={params.toString()}
          />
        ) : (
          <p className={styles.nothing}>
            {code ? "The catalogue has no such test. " : ""}Choose a test, or find one by any name.
          </p>
        )}
      </div>
    </Shell>
  );
}
