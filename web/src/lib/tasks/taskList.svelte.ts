import { fits } from '$lib/text/fits';
import { groupTasks, type Grouping, type Task } from './taskGroups';

export type Whose = 'all' | 'own' | 'team';

/** Somebody's tasks as they choose to see them: filtered, grouped, and what comes later folded away. */
export class TaskList {
  grouping = $state<Grouping>('date');
  whose = $state<Whose>('all');
  filter = $state('');
  later = $state(false);
  readonly #tasks: () => Task[];

  constructor(tasks: () => Task[]) {
    this.#tasks = tasks;
  }

  /** Those that fit, whether or not they can be done now. */
  readonly fitting = $derived.by(() =>
    this.#tasks().filter(
      (t) => this.#isWanted(t) && (this.filter.trim() === '' || fits(`${t.name} ${t.hire} ${t.job ?? ''} ${t.site ?? ''}`, this.filter))
    )
  );
  readonly now = $derived(this.fitting.filter((t) => t.canStart));
  readonly laterOnes = $derived(this.fitting.filter((t) => !t.canStart));
  readonly groups = $derived.by(() => {
    const groups = groupTasks(this.now, this.grouping);
    return this.later ? [...groups, { id: 'later', name: null, tasks: this.laterOnes }] : groups;
  });

  // A team's task that somebody else of it took on is theirs; one that nobody took is everybody's.
  #isWanted(task: Task): boolean {
    if (this.whose === 'own') return !task.isTeams || task.isTakenByMe;
    return this.whose === 'team' ? task.isTeams : true;
  }
}
