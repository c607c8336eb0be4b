using Mortar.Data.Access;
using Mortar.Data.History;

namespace Mortar.Server.Features.Access;

/// <summary>Who sees what: invitations, steps, ends.</summary>
internal static class AccessSetup
{
    public static void AddAccess(this IServiceCollection services) =>
        services
            .AddScoped<GrantCommands>()
            .AddScoped<InvitationCommands>()
            .AddScoped<GroupAccessCommands>()
            .AddScoped<AskCommands>()
            .AddScoped<OpenAskCommands>()
            .AddScoped<AccessHistory>();

    public static void MapAccess(this RouteGroupBuilder api)
    {
        var calendar = api.MapGroup("/calendars/{calendarId:guid}");
        ListAccess.Map(calendar);
        ReadAudience.Map(calendar);
        ChangeAccess.Map(calendar);
        Invite.Map(calendar);
        InviteMany.Map(calendar);
        GroupAccess.Map(calendar);
        AskForAccess.Map(api, calendar);
        AskByName.Map(api);
        AccessTable.Map(api);
        ReadAccessHistory.Map(api, calendar);
        AnswerInvitation.Map(api);
        OpenInvitation.Map(api);
    }
}
