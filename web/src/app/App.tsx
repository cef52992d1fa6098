import { lazy } from "react";
import { BrowserRouter, Navigate, Route, Routes, useParams } from "react-router";
import { PlanProvider } from "../data/plan";
import { Queries } from "../data/Queries";
import { SayingProvider } from "../data/saying";
import { GlobalStyle } from "../look/GlobalStyle";
import { AllClients } from "./AllClients";
import { Caught } from "./Caught";
import { FirstRun, Plain } from "./FirstRun";
import { Unreadable } from "./Unreadable";
import { Frame } from "./Frame";
import { AskedProvider } from "./asked";

const Brief = lazy(() => import("../stages/brief/index"));
const Gather = lazy(() => import("../stages/gather/index"));
const Sift = lazy(() => import("../stages/sift/index"));
const Arrange = lazy(() => import("../stages/arrange/index"));
const Fit = lazy(() => import("../stages/fit/index"));
const HandOver = lazy(() => import("../stages/handover/index"));
const Learn = lazy(() => import("../stages/learn/index"));

export function App() {
  return (
    <SayingProvider>
      <GlobalStyle />
      <Queries>
        <BrowserRouter>
          <Caught what="The page">
            <Routes>
              <Route path="/" element={<FirstRun />} />
              <Route path="/clients" element={<AllClients />} />
              <Route path="/plan/:id" element={<OpenPlan />}>
                <Route index element={<Navigate to="brief" replace />} />
                <Route path="brief" element={<Brief />} />
                <Route path="gather" element={<Gather />} />
                <Route path="sift" element={<Sift />} />
                <Route path="arrange" element={<Arrange />} />
                <Route path="fit" element={<Fit />} />
                <Route path="hand-over" element={<HandOver />} />
                <Route path="learn" element={<Learn />} />
                <Route path="*" element={<Navigate to="../brief" replace />} />
              </Route>
              <Route path="*" element={<Navigate to="/" replace />} />
            </Routes>
          </Caught>
        </BrowserRouter>
      </Queries>
    </SayingProvider>
  );
}

function OpenPlan() {
  const id = Number(useParams().id);
  return (
    <PlanProvider
      key={id}
      id={id}
      waiting={<Plain>Opening the plan …</Plain>}
      failed={(why) => <Unreadable id={id} why={why} />}
    >
      <AskedProvider>
        <Frame />
      </AskedProvider>
    </PlanProvider>
  );
}
