"""All addresses of the application."""

from django.urls import include, path

handler400 = "web.config.fault_pages.unreadable"
handler403 = "web.config.fault_pages.refused"
handler404 = "web.config.fault_pages.not_found"
handler500 = "web.config.fault_pages.broken"

urlpatterns = [
    path("accounts/", include("web.accounts.urls")),
    path("scenes/", include("web.workbench.urls")),
    path("files/", include("web.library.urls")),
    path("fonts/", include("web.fonts.urls")),
    path("guide/", include("web.guide.urls")),
    path("renders/", include("web.renders.urls")),
    path("", include("web.projects.urls")),
]
