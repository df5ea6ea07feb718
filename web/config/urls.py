"""All addresses of the application."""

from django.urls import include, path

urlpatterns = [
    path("accounts/", include("web.accounts.urls")),
    path("scenes/", include("web.workbench.urls")),
    path("files/", include("web.library.urls")),
    path("renders/", include("web.renders.urls")),
    path("", include("web.projects.urls")),
]
