"""What migrations make tables with: all of an app at once, and the guards of what is recorded."""

from django.db import migrations
from django.db.backends.base.schema import BaseDatabaseSchemaEditor
from django.db.migrations.state import ProjectState, StateApps


class CreateTables(migrations.SeparateDatabaseAndState):
    """Creates the tables of several models.

    One ``CreateModel`` after another does the same, but each time makes the classes of all models that refer
    to the others again, which makes a first start some ten seconds slower.
    """

    def __init__(self, *models: migrations.CreateModel) -> None:
        super().__init__(state_operations=models)
        self.models = models

    def state_forwards(self, app_label: str, state: ProjectState) -> None:
        """Add the models; where there are classes already, theirs beside them."""
        apps: StateApps | None = state.__dict__.pop("apps", None)
        super().state_forwards(app_label, state)
        if apps is not None:
            apps.render_multiple([state.models[app_label, model.name_lower] for model in self.models])
            state.__dict__["apps"] = apps

    def database_forwards(
        self,
        app_label: str,
        schema_editor: BaseDatabaseSchemaEditor,
        from_state: ProjectState,
        to_state: ProjectState,
    ) -> None:
        """Create the tables."""
        for model in self.models:
            schema_editor.create_model(to_state.apps.get_model(app_label, model.name))

    def database_backwards(
        self,
        app_label: str,
        schema_editor: BaseDatabaseSchemaEditor,
        from_state: ProjectState,
        to_state: ProjectState,
    ) -> None:
        """Drop the tables."""
        for model in reversed(self.models):
            schema_editor.delete_model(from_state.apps.get_model(app_label, model.name))


def guarded(*tables: str) -> list[migrations.RunSQL]:
    """Guards for a migration: the database refuses to change or to delete a row of any of ``tables``."""
    return [
        migrations.RunSQL(
            f"CREATE TRIGGER {table}_never_{done} BEFORE {statement} ON {table} FOR EACH ROW SIGNAL SQLSTATE "
            f"'45000' SET MESSAGE_TEXT = 'a record is corrected by a later one, never {done}'",
            f"DROP TRIGGER {table}_never_{done}",
        )
        for table in tables
        for done, statement in (("changed", "UPDATE"), ("deleted", "DELETE"))
    ]
