import { BuildList } from '@/features/builds/build-list';
import { GoOn } from '@/shell/go-on';

export default function IndexRoute() {
  return (
    <GoOn>
      <BuildList />
    </GoOn>
  );
}
