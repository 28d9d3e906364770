-- Which attribute of a title block carries which fact. Editions stay: a stamp names the one it was made with.
create table if not exists sheet_map (
  id bigint not null auto_increment primary key,
  name varchar(60) not null,
  edition int not null,
  definition json not null,
  constraint sheet_map_edition unique (name, edition)
);
