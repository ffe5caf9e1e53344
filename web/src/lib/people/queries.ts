/** The keys under which what is found of people is kept. */
export const peopleKeys = {
  list: (asked: string, on: string | null, all: boolean) => ['people', 'list', asked, on, all] as const,
  find: (asked: string) => ['people', 'find', asked] as const,
  byNumber: (asked: string) => ['people', 'number', asked] as const,
  goTo: (asked: string) => ['goto', asked] as const
};
