using System.Net;

namespace Mortar.Server.Hosting;

/// <summary>
/// What an operator looks for after something went wrong: who signed in or could not, from where, whose account was made or
/// deleted, what was refused, and who gave or ended what. Structured events with ids; no names, addresses, titles, notes or secrets.
/// </summary>
internal sealed partial class SecurityLog(ILogger<SecurityLog> log)
{
    [LoggerMessage(1, LogLevel.Information, "{Person} signed in as {SignIn} from {Network}")]
    public partial void SignedIn(Guid person, Guid signIn, IPAddress? network);

    [LoggerMessage(2, LogLevel.Information, "{Person} signed out of {SignIn}")]
    public partial void SignedOut(Guid person, Guid signIn);

    [LoggerMessage(
        3,
        LogLevel.Warning,
        "A sign-in failed from {Network}; for {Person}, where there is such an account"
    )]
    public partial void SignInFailed(IPAddress? network, Guid? person);

    [LoggerMessage(4, LogLevel.Information, "{Person} was refused {Method} {Route} with {Status} from {Network}")]
    public partial void Refused(Guid? person, string method, string? route, int status, IPAddress? network);

    [LoggerMessage(
        5,
        LogLevel.Information,
        "{Actor} changed {Subject} {Id} of calendar {Calendar} or group {Group}, for {Whom}"
    )]
    public partial void AccessChanged(Guid actor, string subject, Guid id, Guid? calendar, Guid? group, Guid? whom);

    [LoggerMessage(
        6,
        LogLevel.Information,
        "The account {Person} was made, with an address that is confirmed: {Confirmed}"
    )]
    public partial void AccountMade(Guid person, bool confirmed);

    [LoggerMessage(7, LogLevel.Information, "{Person} deleted their account from {Network}")]
    public partial void AccountDeleted(Guid person, IPAddress? network);

    [LoggerMessage(8, LogLevel.Warning, "The key of a device was refused from {Network}")]
    public partial void KeyRefused(IPAddress? network);
}
