import { Navigate, Route, Routes } from 'react-router';
import { useMe } from './api';
import { DeskPlace } from './desk/desk';
import { HostsPlace } from './hosts/hosts';
import { MovePlace } from './move/movePlace';
import { MovesPlace } from './moves/moves';
import { Shell } from './shell/shell';
import { SignIn } from './signIn/signIn';
import { SurveyPlace } from './sweeps/surveyPlace';
import { SweepPlace } from './sweeps/sweep';
import { SweepsPlace } from './sweeps/sweeps';
import { Failed, Loading } from './ui/states';
import { ToastPlace } from './ui/toast';

export function App() {
  const me = useMe();
  if (me.isPending)
    return (
      <div className="p-8">
        <Loading what="who you are" />
      </div>
    );
  if (me.isError)
    return (
      <div className="mx-auto max-w-lg p-8">
        <Failed error={me.error} retry={() => void me.refetch()} />
      </div>
    );
  if (!me.data) return <SignIn />;
  return (
    <ToastPlace>
      <Shell me={me.data}>
        <Routes>
          <Route path="/" element={<DeskPlace me={me.data} />} />
          <Route path="/moves" element={<MovesPlace />} />
          <Route path="/moves/sweeps" element={<SweepsPlace me={me.data} />} />
          <Route path="/moves/sweeps/:id" element={<SweepPlace me={me.data} />} />
          <Route path="/surveys/:id" element={<SurveyPlace me={me.data} />} />
          <Route path="/moves/:id/:chapter?" element={<MovePlace me={me.data} />} />
          <Route path="/hosts" element={<HostsPlace me={me.data} />} />
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Shell>
    </ToastPlace>
  );
}
