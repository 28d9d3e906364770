-- The version with which a revision was released.
alter table revision add foreign key if not exists revision_released_version (released_version) references version (id);
