-- What the content of a version refers to: the path as written, the document that it means, and which version the author worked with.
create table if not exists version_reference (
  version bigint not null,
  seq int not null,
  role varchar(10) character set ascii collate ascii_bin not null,
  path varchar(1000) not null,
  quantity int not null,
  state varchar(10) character set ascii collate ascii_bin not null,
  component bigint null,
  captured bigint null,
  source varchar(10) character set ascii collate ascii_bin null,
  primary key (version, seq),
  key version_reference_component (component, version),
  constraint version_reference_role check (role in ('COMPONENT','SHEET','IMAGE')),
  constraint version_reference_state check (state in ('FOUND','MISSING','AMBIGUOUS')),
  constraint version_reference_found check ((state = 'FOUND') = (component is not null and captured is not null and source is not null)),
  constraint version_reference_source check (source is null or source in ('DESK','ASSUMED','PICKED')),
  constraint version_reference_quantity check (quantity > 0),
  constraint version_reference_version foreign key (version) references version (id),
  constraint version_reference_captured foreign key (captured, component) references version (id, item)
);
