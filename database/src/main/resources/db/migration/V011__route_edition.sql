-- One edition of a route; documents under way finish on the edition they started with.
create table if not exists route_edition (
  id bigint not null auto_increment primary key,
  route bigint not null,
  edition int not null,
  definition json not null,
  constraint route_edition_number unique (route, edition),
  constraint route_edition_route foreign key (route) references route (id)
);
