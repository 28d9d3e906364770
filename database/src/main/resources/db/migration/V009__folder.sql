-- A folder of a shelf. The root of a shelf has no parent; ordinal is the place in the shelf's tree, top down.
create table if not exists folder (
  id bigint not null auto_increment primary key,
  shelf bigint not null,
  parent bigint null,
  name varchar(120) not null,
  name_key varchar(120) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  root_mark smallint null check (root_mark = 1),
  depth int not null,
  ordinal int not null,
  constraint folder_name unique (parent, name_key),
  constraint folder_shelf_id unique (id, shelf),
  constraint folder_root unique (shelf, root_mark),
  constraint folder_has_parent_or_is_root check ((parent is null) = (root_mark is not null)),
  constraint folder_shelf foreign key (shelf) references shelf (id),
  constraint folder_parent foreign key (parent, shelf) references folder (id, shelf)
);
