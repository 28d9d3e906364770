-- Which version of a component was in force when a revision was released with it.
create table if not exists release_component (
  revision bigint not null,
  component bigint not null,
  version bigint not null,
  component_revision bigint not null,
  released tinyint(1) not null,
  primary key (revision, component),
  key release_component_component (component),
  constraint release_component_revision foreign key (revision) references revision (id),
  constraint release_component_version foreign key (version, component) references version (id, item),
  constraint release_component_of foreign key (component_revision, component) references revision (id, item)
);
