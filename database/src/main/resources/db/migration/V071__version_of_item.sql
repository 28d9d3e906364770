-- So that a captured version is one of the component that it is captured for.
create unique index if not exists version_of_item on version (id, item);
